package export

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strings"
	"unicode/utf8"

	"github.com/xuri/excelize/v2"

	"oarweed/core/problem"
)

// mostRows of a table that is taken in.
const mostRows = 5000

// ReadTable reads a CSV or XLSX file as rows of cells. Commas, semicolons and tabs
// separate; a byte-order mark is dropped. The error says what it is not.
func ReadTable(data []byte) ([][]string, error) { return ReadRows(data, mostRows) }

// ReadRows is [ReadTable] of at most so many rows.
func ReadRows(data []byte, most int) ([][]string, error) {
	if bytes.HasPrefix(data, []byte("PK")) {
		f, err := excelize.OpenReader(bytes.NewReader(data), excelize.Options{UnzipSizeLimit: 64 << 20, UnzipXMLSizeLimit: 16 << 20})
		if err != nil {
			return nil, problem.New("file", "is not a workbook that can be read", "save it as .xlsx or .csv")
		}
		defer f.Close()
		rows, err := f.GetRows(f.GetSheetName(0))
		if err != nil {
			return nil, problem.New("file", "has no sheet that can be read", "save it as .csv")
		}
		return bounded(rows, most)
	}
	text := strings.TrimPrefix(string(data), "\ufeff")
	if !utf8.ValidString(text) {
		return nil, problem.New("file", "is not text in UTF-8", "save it as CSV UTF-8, or as .xlsx")
	}
	r := csv.NewReader(strings.NewReader(text))
	r.Comma = separator(text)
	r.FieldsPerRecord = -1
	r.LazyQuotes = true
	var rows [][]string
	for {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			return bounded(rows, most)
		}
		if err != nil {
			var at *csv.ParseError
			if errors.As(err, &at) {
				return nil, problem.New("file", fmt.Sprintf("line %d, column %d: %v", at.Line, at.Column, at.Err), "correct that line")
			}
			return nil, problem.New("file", err.Error(), "save it as CSV")
		}
		rows = append(rows, row)
	}
}

func bounded(rows [][]string, most int) ([][]string, error) {
	if len(rows) == 0 {
		return nil, problem.New("file", "is empty", "give a table with a name in each row")
	}
	if len(rows) > most {
		return nil, problem.New("file", fmt.Sprintf("has %d rows", len(rows)), fmt.Sprintf("give at most %d at once", most))
	}
	return rows, nil
}

// separator is the one of comma, semicolon and tab that the first line has most of.
func separator(text string) rune {
	line, _, _ := strings.Cut(text, "\n")
	best, most := ',', 0
	for _, c := range []rune{',', ';', '\t'} {
		if n := strings.Count(line, string(c)); n > most {
			best, most = c, n
		}
	}
	return best
}

// CSV writes a table. A cell that a spreadsheet would take for a formula is quoted with an
// apostrophe, so that opening the file runs nothing.
func CSV(rows [][]string) ([]byte, error) {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	for _, row := range rows {
		safe := make([]string, len(row))
		for i, c := range row {
			safe[i] = harmless(c)
		}
		if err := w.Write(safe); err != nil {
			return nil, err
		}
	}
	w.Flush()
	return b.Bytes(), w.Error()
}

func harmless(cell string) string {
	if cell != "" && strings.ContainsRune("=+-@\t\r", rune(cell[0])) {
		return "'" + cell
	}
	return cell
}

// XLSX writes a table as a workbook of one sheet.
func XLSX(sheet string, rows [][]string) ([]byte, error) {
	f := excelize.NewFile()
	defer f.Close()
	if err := f.SetSheetName("Sheet1", sheet); err != nil {
		return nil, err
	}
	for i, row := range rows {
		at, err := excelize.CoordinatesToCellName(1, i+1)
		if err != nil {
			return nil, err
		}
		if err := f.SetSheetRow(sheet, at, &row); err != nil {
			return nil, err
		}
	}
	b, err := f.WriteToBuffer()
	if err != nil {
		return nil, err
	}
	return b.Bytes(), nil
}

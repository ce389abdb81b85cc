package app

import (
	"context"
	"crypto/rand"
	"crypto/subtle"
	"encoding/base64"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"time"

	"golang.org/x/crypto/argon2"

	"oarweed/core/practice"
	"oarweed/core/problem"
)

// secretKind are documents that never leave with an export.
const secretKind = "secret"

// Secrets of a school, each by its key.
const (
	passphraseKey = "passphrase"
	joinPrefix    = "join "
)

// argon2id with the parameters that RFC 9106 recommends second (64 MiB, 3 passes, 4
// lanes), which a small machine can bear.
const (
	argonTime, argonMemory, argonLanes = 3, 64 << 10, 4
	saltBytes, keyBytes                = 16, 32
)

// LeastPassphrase is the least number of letters of a passphrase.
const LeastPassphrase = 10

type hashed struct {
	Salt string `json:"salt"`
	Hash string `json:"hash"`
}

func stretch(phrase string, salt []byte) []byte {
	return argon2.IDKey([]byte(phrase), salt, argonTime, argonMemory, argonLanes, keyBytes)
}

// HasPassphrase reports whether one was set.
func (s *School) HasPassphrase(ctx context.Context) (bool, error) {
	_, err := s.secretBy(ctx, passphraseKey)
	if errors.Is(err, ErrNotFound) {
		return false, nil
	}
	return err == nil, err
}

// SetPassphrase sets the instructor's passphrase, or changes it.
func (s *School) SetPassphrase(ctx context.Context, phrase string) error {
	if n := len([]rune(phrase)); n < LeastPassphrase || n > 200 {
		return problem.New("passphrase", fmt.Sprintf("has %d letters", n), fmt.Sprintf("use %d to 200: a few words are easier than signs", LeastPassphrase))
	}
	salt := make([]byte, saltBytes)
	_, _ = rand.Read(salt)
	body, err := json.Marshal(hashed{base64.StdEncoding.EncodeToString(salt), base64.StdEncoding.EncodeToString(stretch(phrase, salt))})
	if err != nil {
		return err
	}
	d, err := s.secretBy(ctx, passphraseKey)
	if err != nil && !errors.Is(err, ErrNotFound) {
		return err
	}
	d.Kind, d.Key, d.Body = secretKind, passphraseKey, body
	_, err = s.records.SaveDocument(ctx, d)
	return err
}

// Passes reports whether a phrase is the passphrase.
func (s *School) Passes(ctx context.Context, phrase string) (bool, error) {
	d, err := s.secretBy(ctx, passphraseKey)
	if err != nil {
		return false, err
	}
	var h hashed
	if err := json.Unmarshal(d.Body, &h); err != nil {
		return false, err
	}
	salt, err := base64.StdEncoding.DecodeString(h.Salt)
	if err != nil {
		return false, err
	}
	want, err := base64.StdEncoding.DecodeString(h.Hash)
	if err != nil {
		return false, err
	}
	return subtle.ConstantTimeCompare(stretch(phrase, salt), want) == 1, nil
}

func (s *School) secretBy(ctx context.Context, key string) (Document, error) {
	list, err := s.records.Documents(ctx, secretKind)
	if err != nil {
		return Document{}, err
	}
	for _, d := range list {
		if d.Key == key {
			return d, nil
		}
	}
	return Document{}, ErrNotFound
}

// Join is a code by which learners' phones come in.
type Join struct {
	ID      int64     `json:"id" readOnly:"true"`
	Code    string    `json:"code,omitempty" readOnly:"true" doc:"shown once, when it is made"`
	Group   string    `json:"group,omitempty" maxLength:"80"`
	Expires time.Time `json:"expires"`
}

type keptJoin struct {
	Hash    string    `json:"hash"`
	Group   string    `json:"group"`
	Expires time.Time `json:"expires"`
}

// longestJoin is how long a code may last: that of a long day's lesson.
const longestJoin = 16 * time.Hour

// codeLetters are letters and figures that nobody confuses when read out (Crockford's
// base 32, from memory).
const codeLetters = "0123456789ABCDEFGHJKMNPQRSTVWXYZ"

// randomCode is n letters of 5 random bits each.
func randomCode(n int) string {
	b := make([]byte, n)
	_, _ = rand.Read(b)
	for i := range b {
		b[i] = codeLetters[b[i]&31]
	}
	return string(b)
}

// plainCode reads a code as somebody types it.
func plainCode(s string) string {
	s = strings.ToUpper(strings.NewReplacer(" ", "", "-", "").Replace(s))
	return strings.NewReplacer("O", "0", "I", "1", "L", "1").Replace(s)
}

// AddJoin makes a code of 40 random bits that lasts so many minutes.
func (s *School) AddJoin(ctx context.Context, group string, minutes int) (Join, error) {
	last := time.Duration(minutes) * time.Minute
	if last <= 0 || last > longestJoin {
		return Join{}, problem.New("minutes", fmt.Sprintf("%d is no length of a lesson", minutes), "give 1 to 960")
	}
	code := randomCode(8)
	k := keptJoin{fingerprint(code), group, s.now().Add(last).UTC().Truncate(time.Second)}
	body, err := json.Marshal(k)
	if err != nil {
		return Join{}, err
	}
	d, err := s.records.SaveDocument(ctx, Document{Kind: secretKind, Key: joinPrefix + k.Hash, Body: body})
	return Join{d.ID, code[:4] + "-" + code[4:], group, k.Expires}, err
}

// Joins are the codes that still hold, without their letters.
func (s *School) Joins(ctx context.Context) ([]Join, error) {
	list, err := s.records.Documents(ctx, secretKind)
	if err != nil {
		return nil, err
	}
	out := []Join{}
	for _, d := range list {
		if k, ok := joinOf(d); ok && s.now().Before(k.Expires) {
			out = append(out, Join{ID: d.ID, Group: k.Group, Expires: k.Expires})
		}
	}
	return out, nil
}

func joinOf(d Document) (k keptJoin, ok bool) {
	return k, strings.HasPrefix(d.Key, joinPrefix) && json.Unmarshal(d.Body, &k) == nil
}

// EndJoin ends a code before its time.
func (s *School) EndJoin(ctx context.Context, id int64) error {
	d, err := s.records.Document(ctx, secretKind, id)
	if err != nil {
		return err
	}
	if _, ok := joinOf(d); !ok {
		return ErrNotFound
	}
	return s.records.DeleteDocument(ctx, secretKind, id)
}

// JoinAs lets somebody in by a code and a name: the learner of that name, or a new one in
// the group of the code. The error does not say whether a code ever was.
func (s *School) JoinAs(ctx context.Context, code, called string) (practice.Learner, time.Time, error) {
	none := problem.New("code", "is not one that holds now", "read it again from the instructor's screen, or ask for a new one")
	d, err := s.secretBy(ctx, joinPrefix+fingerprint(plainCode(code)))
	if errors.Is(err, ErrNotFound) {
		return practice.Learner{}, time.Time{}, none
	}
	if err != nil {
		return practice.Learner{}, time.Time{}, err
	}
	k, ok := joinOf(d)
	if !ok || !s.now().Before(k.Expires) {
		return practice.Learner{}, time.Time{}, none
	}
	l := practice.Learner{Name: called}
	if k.Group != "" {
		l.Groups = []string{k.Group}
	}
	out, _, err := s.AddLearner(ctx, l)
	return out, k.Expires, err
}

// NewSetupCode is a code with which the first passphrase is set.
func NewSetupCode() string {
	c := randomCode(8)
	return c[:4] + "-" + c[4:]
}

// SameCode compares codes as people type them, in constant time.
func SameCode(a, b string) bool {
	return subtle.ConstantTimeCompare([]byte(plainCode(a)), []byte(plainCode(b))) == 1
}

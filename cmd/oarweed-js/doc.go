//go:build !(js && wasm)

// Command oarweed-js is the use cases compiled for the browser; see main.go. Build it with
// GOOS=js GOARCH=wasm.
package main

import "fmt"

func main() { fmt.Println("Build this with GOOS=js GOARCH=wasm.") }

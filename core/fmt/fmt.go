// Package fmt formats text: with Go's fmt, and in a browser, where a phone loads every byte of
// it, with package small, which formats the same.
package fmt

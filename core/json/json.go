// Package json writes and reads JSON: with encoding/json, and in a browser, where a phone
// loads every byte of it, with package small, which writes and reads the same.
package json

package mail_test

import (
	"bufio"
	"fmt"
	"net"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/mail"
)

// postOffice answers one SMTP session as RFC 5321 has it, and tells what it was given.
func postOffice(t *testing.T) (address string, given <-chan string) {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { _ = l.Close() })
	got := make(chan string, 1)
	go func() {
		c, err := l.Accept()
		if err != nil {
			return
		}
		defer c.Close() //nolint:errcheck // test
		said, whole, data := bufio.NewScanner(c), strings.Builder{}, false
		fmt.Fprint(c, "220 post.example\r\n")
		for said.Scan() {
			line := said.Text()
			whole.WriteString(line + "\n")
			switch verb, _, _ := strings.Cut(strings.ToUpper(line), " "); {
			case data && line == ".":
				data = false
				fmt.Fprint(c, "250 kept\r\n")
			case data:
			case verb == "DATA":
				data = true
				fmt.Fprint(c, "354 go on\r\n")
			case verb == "QUIT":
				fmt.Fprint(c, "221 bye\r\n")
				got <- whole.String()
				return
			default:
				fmt.Fprint(c, "250 fine\r\n")
			}
		}
	}()
	return l.Addr().String(), got
}

func TestALetterIsCarriedBySMTP(t *testing.T) {
	address, given := postOffice(t)
	post, err := mail.Through("smtp://"+address, "", "band@quillmarsh.example")
	require.NoError(t, err)
	l := mail.Reset("odile@quillmarsh.example", "Odile", "https://band.example.org/new-password#abc")
	require.NoError(t, post.Carry(t.Context(), l))
	got := <-given
	assert.Contains(t, got, "MAIL FROM:<band@quillmarsh.example>")
	assert.Contains(t, got, "RCPT TO:<odile@quillmarsh.example>")
	assert.Contains(t, got, "Subject: A new password for Early Chorus")
	assert.Contains(t, got, "/new-password#abc")
}

func TestAPostThatCannotBeSaysWhy(t *testing.T) {
	for _, address := range []string{"mail.example.org", "https://mail.example.org", "smtp://"} {
		_, err := mail.Through(address, "", "a@b.example")
		assert.ErrorContains(t, err, "smtp://", address)
	}
	_, err := mail.Through("smtps://me@mail.example.org", "x", "not an address")
	assert.ErrorContains(t, err, "come from")
}

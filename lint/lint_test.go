// Package lint_test holds the Go code to the house's own rules, beside gofumpt,
// golines, vet and staticcheck. docs/architecture.md says why.
package lint_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/require"
)

const (
	widest  = 120 // columns; a tab is four
	longest = 60  // lines of a function
)

// source is a file of ours.
type source struct {
	path  string
	lines []string
	set   *token.FileSet
	tree  *ast.File
}

func (s source) at(p token.Pos) string { return s.set.Position(p).String() }
func (s source) line(p token.Pos) int  { return s.set.Position(p).Line }
func (s source) isTest() bool          { return strings.HasSuffix(s.path, "_test.go") }

// sources reads every Go file of the repository.
func sources(t *testing.T) (out []source) {
	t.Helper()
	err := filepath.WalkDir("..", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && (d.Name() == "node_modules" || d.Name() == "data" || strings.HasPrefix(
			d.Name(),
			".",
		) && path != "..") {
			return fs.SkipDir
		}
		if !strings.HasSuffix(path, ".go") {
			return nil
		}
		text, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		s := source{path: path, lines: strings.Split(string(text), "\n"), set: token.NewFileSet()}
		s.tree, err = parser.ParseFile(s.set, path, text, parser.ParseComments)
		out = append(out, s)
		return err
	})
	require.NoError(t, err)
	require.Greater(t, len(out), 300)
	return out
}

// tag is the beginning of a struct's tag.
var tag = regexp.MustCompile("`[a-z]+:\"")

// Lines stay within 120 columns. A struct's tag cannot be wrapped, and is let be.
func TestLinesAreNotTooWide(t *testing.T) {
	for _, s := range sources(t) {
		for n, l := range s.lines {
			width := utf8.RuneCountInString(strings.ReplaceAll(l, "\t", "    "))
			if width > widest && !tag.MatchString(l) {
				t.Errorf("%s:%d: %d columns", s.path, n+1, width)
			}
		}
	}
}

// A function fits a screen, not counting the tables in it.
func TestFunctionsFitAScreen(t *testing.T) {
	for _, s := range sources(t) {
		if s.isTest() {
			continue
		}
		for _, d := range s.tree.Decls {
			f, ok := d.(*ast.FuncDecl)
			if !ok || f.Body == nil {
				continue
			}
			if lines := s.line(f.End()) - s.line(f.Pos()) + 1 - s.inTables(f); lines > longest {
				t.Errorf("%s: %s has %d lines", s.at(f.Pos()), f.Name.Name, lines)
			}
		}
	}
}

// table is how many lines a literal has at least that counts as one.
const table = 8

// inTables counts the lines of a function that are inside large literals.
func (s source) inTables(f *ast.FuncDecl) (lines int) {
	ast.Inspect(f.Body, func(n ast.Node) bool {
		lit, ok := n.(*ast.CompositeLit)
		if !ok {
			return true
		}
		inside := s.line(lit.Rbrace) - s.line(lit.Lbrace) - 1
		if inside < table {
			return true
		}
		lines += inside
		return false
	})
	return lines
}

// A literal of more than three named fields has one a line.
func TestLargeLiteralsHaveAFieldALine(t *testing.T) {
	for _, s := range sources(t) {
		ast.Inspect(s.tree, func(n ast.Node) bool {
			lit, ok := n.(*ast.CompositeLit)
			if !ok || len(lit.Elts) <= 3 {
				return true
			}
			for n, e := range lit.Elts {
				pair, named := e.(*ast.KeyValueExpr)
				if !named {
					return true
				}
				if _, field := pair.Key.(*ast.Ident); !field {
					return true
				}
				if n > 0 && s.line(e.Pos()) == s.line(lit.Elts[n-1].End()) {
					t.Errorf("%s: more than three fields share lines", s.at(e.Pos()))
					return true
				}
			}
			return true
		})
	}
}

// What is chosen by a truth is chosen with an if, not out of a map of two.
func TestNobodyLooksATruthUp(t *testing.T) {
	for _, s := range sources(t) {
		ast.Inspect(s.tree, func(n ast.Node) bool {
			index, ok := n.(*ast.IndexExpr)
			if !ok {
				return true
			}
			if lit, ok := index.X.(*ast.CompositeLit); ok {
				if m, ok := lit.Type.(*ast.MapType); ok {
					if key, ok := m.Key.(*ast.Ident); ok && key.Name == "bool" {
						t.Errorf("%s: a map of bools, looked up", s.at(n.Pos()))
					}
				}
			}
			return true
		})
	}
}

// No return gives a variable beside a call that is given its address: Go leaves open
// which comes first ("Order of evaluation" in its specification).
func TestNothingIsReturnedBesideWhatFillsIt(t *testing.T) {
	for _, s := range sources(t) {
		ast.Inspect(s.tree, func(n ast.Node) bool {
			ret, ok := n.(*ast.ReturnStmt)
			if !ok {
				return true
			}
			given := map[string]bool{}
			for _, r := range ret.Results {
				if id, ok := r.(*ast.Ident); ok {
					given[id.Name] = true
				}
			}
			for _, r := range ret.Results {
				ast.Inspect(r, func(n ast.Node) bool {
					if u, ok := n.(*ast.UnaryExpr); ok && u.Op == token.AND {
						if id, ok := u.X.(*ast.Ident); ok && given[id.Name] {
							t.Errorf("%s: %s is returned beside a call that fills it", s.at(ret.Pos()), id.Name)
						}
					}
					return true
				})
			}
			return true
		})
	}
}

// Every exported thing says what it is. Constants and variables may share their
// group's sentence.
func TestEveryExportedThingHasASentence(t *testing.T) {
	for _, s := range sources(t) {
		if s.isTest() {
			continue
		}
		for _, d := range s.tree.Decls {
			switch d := d.(type) {
			case *ast.FuncDecl:
				if d.Name.IsExported() && d.Doc == nil && receiverIsExported(d) && !obvious(d.Name.Name) {
					t.Errorf("%s: %s has no sentence", s.at(d.Pos()), d.Name.Name)
				}
			case *ast.GenDecl:
				for _, spec := range d.Specs {
					for _, name := range undocumented(d, spec) {
						t.Errorf("%s: %s has no sentence", s.at(name.Pos()), name.Name)
					}
				}
			}
		}
	}
}

// obvious are methods whose interface says what they do.
func obvious(name string) bool {
	switch name {
	case "Error", "Unwrap", "String", "ServeHTTP":
		return true
	}
	return false
}

func receiverIsExported(f *ast.FuncDecl) bool {
	if f.Recv == nil {
		return true
	}
	of := f.Recv.List[0].Type
	if p, ok := of.(*ast.StarExpr); ok {
		of = p.X
	}
	if g, ok := of.(*ast.IndexExpr); ok {
		of = g.X
	}
	id, ok := of.(*ast.Ident)
	return ok && id.IsExported()
}

// undocumented lists the exported names of a declaration that nothing is said of.
func undocumented(d *ast.GenDecl, spec ast.Spec) (out []*ast.Ident) {
	switch spec := spec.(type) {
	case *ast.TypeSpec:
		if spec.Name.IsExported() && d.Doc == nil && spec.Doc == nil && spec.Comment == nil {
			out = append(out, spec.Name)
		}
	case *ast.ValueSpec:
		if d.Doc != nil || spec.Doc != nil || spec.Comment != nil || d.Lparen.IsValid() {
			return nil
		}
		for _, name := range spec.Names {
			if name.IsExported() {
				out = append(out, name)
			}
		}
	}
	return out
}

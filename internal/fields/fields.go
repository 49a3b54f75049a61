// Package fields answers: what does each field of the API's types say of itself? It
// reads the comments of the Go source, which are the one place where it is said.
package fields

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"path"
	"path/filepath"
	"reflect"
	"strconv"
	"strings"
)

// Read gives the comment of every field with a JSON name in the Go source below some
// folders, by package, type and JSON name: "frame.Anchor.at"; and of every exported type:
// "frame.Anchor.". A field without a comment of its own has that of its type, where the
// type is of the same source. The error is that of reading or parsing a file.
func Read(roots ...string) (map[string]string, error) {
	all, types := map[string]string{}, map[string]string{}
	typeOf := map[string]string{} // the named type of each field
	for _, root := range roots {
		err := filepath.WalkDir(root, func(p string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(p, ".go") || strings.HasSuffix(p, "_test.go") {
				return err
			}
			f, err := parser.ParseFile(token.NewFileSet(), p, nil, parser.ParseComments)
			if err != nil {
				return err
			}
			pkg := path.Base(filepath.ToSlash(filepath.Dir(p)))
			for _, decl := range f.Decls {
				g, ok := decl.(*ast.GenDecl)
				if !ok || g.Tok != token.TYPE {
					continue
				}
				for _, spec := range g.Specs {
					t := spec.(*ast.TypeSpec)
					name := pkg + "." + t.Name.Name
					types[name] = said(t.Doc, g.Doc, t.Comment)
					if s, ok := t.Type.(*ast.StructType); ok {
						readStruct(s, name, pkg, all, typeOf)
					}
				}
			}
			return nil
		})
		if err != nil {
			return nil, err
		}
	}
	for t, text := range types {
		if _, name, _ := strings.Cut(t, "."); ast.IsExported(name) {
			all[t+"."] = text
		}
	}
	for field, t := range typeOf {
		if all[field] == "" {
			all[field] = types[t]
		}
	}
	return all, nil
}

func readStruct(s *ast.StructType, name, pkg string, all, typeOf map[string]string) {
	for _, f := range s.Fields.List {
		if f.Tag == nil {
			continue
		}
		tag, err := strconv.Unquote(f.Tag.Value)
		if err != nil {
			continue
		}
		key, _, _ := strings.Cut(reflect.StructTag(tag).Get("json"), ",")
		if key == "" || key == "-" {
			continue
		}
		field := name + "." + key
		all[field] = said(f.Comment, f.Doc)
		typeOf[field] = named(f.Type, pkg)
	}
}

// named is the name of a type, or of what a pointer, list or map holds.
func named(t ast.Expr, pkg string) string {
	switch t := t.(type) {
	case *ast.Ident:
		return pkg + "." + t.Name
	case *ast.SelectorExpr:
		return t.X.(*ast.Ident).Name + "." + t.Sel.Name
	case *ast.StarExpr:
		return named(t.X, pkg)
	case *ast.ArrayType:
		return named(t.Elt, pkg)
	case *ast.MapType:
		return named(t.Value, pkg)
	}
	return ""
}

// said is the first comment that says something, as one line.
func said(groups ...*ast.CommentGroup) string {
	for _, g := range groups {
		if text := strings.Join(strings.Fields(g.Text()), " "); text != "" {
			return text
		}
	}
	return ""
}

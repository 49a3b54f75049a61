package server

import (
	"cmp"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/validation"
)

// Problem is every refusal of the API, as RFC 9457 has it.
type Problem struct {
	Type   string  `json:"type,omitempty"   doc:"What kind of refusal it is, where a page goes by it"`
	Title  string  `json:"title"            doc:"What kind of refusal it is"`
	Status int     `json:"status"`
	Detail string  `json:"detail,omitempty" doc:"What is wrong, in a sentence"`
	Errors []Fault `json:"errors,omitempty" doc:"Each thing that is wrong, with its place"`

	cause error // for the log, where it is the server's fault
}

// Fault is one thing that is wrong with a request.
type Fault struct {
	Pointer string `json:"pointer"          doc:"Its place in the request that was sent, as a JSON pointer (RFC 6901)"`
	Within  string `json:"within,omitempty" doc:"Its place in a text that the request holds: a JSON pointer into a file, a column of a list"`
	Line    int    `json:"line,omitempty"   doc:"The line of that text"`
	Message string `json:"message"          doc:"What is wrong, and how to mend it"`
	Value   any    `json:"value,omitempty"  doc:"What was found there, or what would do"`
}

// Error makes a fault one of huma's details.
func (f *Fault) Error() string { return f.Pointer + ": " + f.Message }

func (p *Problem) Error() string { return p.Title }

// GetStatus gives the HTTP status, for huma.
func (p *Problem) GetStatus() int { return p.Status }

// ContentType names the media type of a problem, for huma.
func (p *Problem) ContentType(string) string { return "application/problem+json" }

// refusal makes a problem of a message and its details. Those that huma's own checks
// found get their place as a pointer.
func refusal(status int, message string, details ...error) huma.StatusError {
	p := &Problem{Title: message, Status: status}
	if status == http.StatusInternalServerError { // what it is concerns the log
		p.Title, p.cause = broke, errors.Join(details...)
		return p
	}
	if message == "" {
		p.Title = http.StatusText(status)
	}
	for _, d := range details {
		switch d := d.(type) {
		case nil:
		case *Fault:
			p.Errors = append(p.Errors, *d)
		case *huma.ErrorDetail:
			if d.Message == validation.MsgUnexpectedProperty {
				p.Title, p.Type = otherVersion, otherVersionType
			}
			p.Errors = append(p.Errors, Fault{Pointer: pointerTo(d.Location), Message: d.Message, Value: d.Value})
		default:
			p.Errors = append(p.Errors, Fault{Message: d.Error()})
		}
	}
	return p
}

// otherVersion and its type are said where a page sends what this server does not know: it was opened
// when another version served it.
const otherVersionType = "other-version"

const otherVersion = "This page is of another version of Sturdy Elbow: reload it"

// broke is said where something failed that should not.
const broke = "Something broke here; what you typed is still in the page"

// logged writes down what the server failed at, as it answers.
func logged(log *slog.Logger) huma.Transformer {
	return func(ctx huma.Context, status string, v any) (any, error) {
		if p, ok := v.(*Problem); ok && log != nil && p.Status >= http.StatusInternalServerError {
			log.Error(
				"request failed",
				"method",
				ctx.Method(),
				"path",
				ctx.URL().Path,
				"status",
				status,
				"error",
				cmp.Or(p.cause, error(p)),
			)
		}
		return v, nil
	}
}

func init() { huma.NewError = refusal }

// pointerTo turns a place as huma writes it, body.stock[1].length, into a pointer into
// the body; of what is no part of the body it is the name.
func pointerTo(location string) string {
	rest, ok := strings.CutPrefix(location, "body")
	if !ok {
		return "/" + strings.ReplaceAll(location, ".", "/")
	}
	return strings.NewReplacer(".", "/", "[", "/", "]", "").Replace(rest)
}

// at is a pointer of its tokens.
func at(tokens ...any) string {
	var b strings.Builder
	for _, t := range tokens {
		b.WriteString("/" + strings.NewReplacer("~", "~0", "/", "~1").Replace(fmt.Sprint(t)))
	}
	return b.String()
}

// sent turns a place in the job that a project stands for into the place in the request
// that the project was sent in.
func sent(path string) string {
	for _, p := range [][2]string{
		{"/job/frames/0/document", "/project/frame"}, {"/job/frames/0", "/project"}, {"/job", "/project"}, {"/bought", "/project/work/bought"},
	} {
		if rest, ok := strings.CutPrefix(path, p[0]); ok {
			return p[1] + rest
		}
	}
	return path
}

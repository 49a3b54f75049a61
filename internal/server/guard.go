package server

import (
	"log/slog"
	"net"
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"
)

// loopback are the names under which only this machine can be meant.
var loopback = []string{"localhost", "127.0.0.1", "::1"}

// guard refuses requests for a foreign host name (DNS rebinding) and writing
// requests that a foreign page sent (cross-site posts). A server that listens
// on every address is reached by any of them, which a rebound name never is.
func guard(hosts []string) gin.HandlerFunc {
	anyAddress := slices.ContainsFunc(hosts, func(h string) bool { ip := net.ParseIP(h); return ip != nil && ip.IsUnspecified() })
	names := make([]string, len(hosts)) // a host's name is the same in capitals
	for i, h := range hosts {
		names[i] = strings.ToLower(strings.TrimSuffix(h, "."))
	}
	known := func(hostport string) bool {
		host, _, err := net.SplitHostPort(hostport)
		if err != nil {
			host = strings.Trim(hostport, "[]")
		}
		host = strings.ToLower(strings.TrimSuffix(host, "."))
		return slices.Contains(loopback, host) || slices.Contains(names, host) || anyAddress && net.ParseIP(host) != nil
	}
	origin := http.NewCrossOriginProtection()
	return func(c *gin.Context) {
		if !known(c.Request.Host) {
			refuse(c, http.StatusMisdirectedRequest, "this server does not answer for that host name")
			return
		}
		if err := origin.Check(c.Request); err != nil {
			refuse(c, http.StatusForbidden, "another site may not write here")
		}
	}
}

func refuse(c *gin.Context, status int, detail string) {
	c.Header("Content-Type", "application/problem+json")
	c.AbortWithStatusJSON(status, Problem{Title: http.StatusText(status), Status: status, Detail: detail})
}

// headers sets what keeps a page from loading or running anything that did not
// come with it, and says which version answers.
func headers(version string) gin.HandlerFunc {
	return func(c *gin.Context) {
		h := c.Writer.Header()
		h.Set("X-Version", version)
		h.Set(
			"Content-Security-Policy",
			"default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data:; connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
		)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("X-Frame-Options", "DENY")
		h.Set("Referrer-Policy", "no-referrer")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=()")
		if strings.HasPrefix(c.Request.URL.Path, "/api/") {
			h.Set("Cache-Control", "no-store")
		}
	}
}

func limitBody() gin.HandlerFunc {
	return func(c *gin.Context) {
		if c.Request.ContentLength > maxBody {
			c.Header("Connection", "close") // what is left unread must not be taken for another request
			refuse(c, http.StatusRequestEntityTooLarge, "more than 4 MiB: plan it in parts")
			return
		}
		c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, maxBody)
	}
}

// recovered answers a panic with a plain problem and logs what happened.
func recovered(log *slog.Logger) gin.HandlerFunc {
	return gin.CustomRecoveryWithWriter(nil, func(c *gin.Context, err any) {
		if log != nil {
			log.Error("request failed", "path", c.Request.URL.Path, "error", err)
		}
		refuse(c, http.StatusInternalServerError, broke)
	})
}

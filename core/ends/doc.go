// Package ends answers: which pipe ends and sockets are open without anybody having said
// so?
package ends

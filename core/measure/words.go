package measure

import "strings"

// NumberWord reads a count that is written in words: four, twenty, a dozen's dozen, a pair's pair.
// ok is false for any other word.
func NumberWord(word string) (n int, ok bool) {
	n, ok = numberWords[strings.ToLower(word)]
	return n, ok
}

var numberWords = map[string]int{
	"a": 1, "an": 1, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9, "ten": 10,
	"eleven": 11, "twelve": 12, "thirteen": 13, "fourteen": 14, "fifteen": 15, "sixteen": 16, "seventeen": 17, "eighteen": 18, "nineteen": 19, "twenty": 20,
	"dozen": 12, "pair": 2, "couple": 2,
}

// Package house has no code: its tests keep the rooms of this project apart.
package house

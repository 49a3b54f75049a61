// Package fitting answers: which fitting stands at each joint, turned which
// way, and which pipe goes into which port?
//
// It looks only at the tangents that meet at a joint and at the pipes' sizes.
// A fitting takes the largest size at its joint; each smaller pipe gets a
// bushing; two sizes in line get a reducing coupling. Ports are at 180, 90 or
// 135 degrees to each other and may be off by [Flex] a port. Where nothing
// fits, the joint is worked as if an elbow stood there and a finding says
// what would help.
package fitting

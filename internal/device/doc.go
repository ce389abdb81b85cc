// Package device reads instruments over the network.
//
// A load cell listens on TCP and sends text, one reading a line: time in seconds since it was
// switched on, force, unit, separated by commas ("12.345,0.512,kN"; N, kgf and lbf will do). A
// line that begins with # is a remark. Oarweed dials it, and dials again when the connection is
// lost. When a pull starts or ends it sends "pull" or "stop", which a cell may ignore.
package device

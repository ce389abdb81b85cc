package device

// Kept is how many readings a hub holds.
func Kept(h *Hub) int {
	h.mu.Lock()
	defer h.mu.Unlock()
	return len(h.last.S)
}

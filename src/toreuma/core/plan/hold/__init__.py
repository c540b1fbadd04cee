"""How the piece is held: grip, stiffness, speed limits, and the surface the next hold takes."""

"""Stand-ins for devices, each a process of its own that speaks the open protocol. Everything they say is made up."""

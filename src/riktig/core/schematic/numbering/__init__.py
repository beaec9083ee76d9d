"""Numbers of nets and tags of devices, by the numbering scheme of the practice, kept once given."""

"""Item models over frozen snapshots; edits go out through callbacks."""

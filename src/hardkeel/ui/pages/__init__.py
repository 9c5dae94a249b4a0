"""One page for each stage of the work; a page is a view of the document and pushes edits to it."""

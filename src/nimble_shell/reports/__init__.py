"""Writers of documents: read core results, compute nothing. `hatches` is the one table of drawn materials."""

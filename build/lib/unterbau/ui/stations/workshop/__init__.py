"""The Workshop station: every piece, and the bars they are sawn from."""

"""Lists people bring, whatever they are of: what their rows come to, and how reading a long one is told while it goes on."""

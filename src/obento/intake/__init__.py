"""From what people hand in (files, folders, zips) to hand-ins. Everything here is taken as hostile."""

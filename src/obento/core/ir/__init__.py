"""The intermediate representation: one Design for every language."""

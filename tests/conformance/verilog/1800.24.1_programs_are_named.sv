// IEEE 1800-2017 clause 24.1: `program` is not read, and named
program p; //! not-yet
endprogram

// IEEE 1800-2017 clause 18: `rand` is not read, and named
class c; //! not-yet
  rand int n;
endclass

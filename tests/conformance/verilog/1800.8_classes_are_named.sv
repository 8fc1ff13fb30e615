// IEEE 1800-2017 clause 8: `class` is not read, and named
class c; //! not-yet
  int n;
endclass
module t;
endmodule

// IEEE 1800-2017 clause 6.22.2: unpacked structures are equivalent only when they are the same type
module t;
  typedef struct { int a; } s_t;
  typedef struct { int a; } r_t;
  s_t s;
  r_t r;
  initial s = r; //! array-differs
endmodule

// IEEE 1800-2017 clause 6.19.3: an enumeration in a structure takes only its own constants
module t;
  typedef enum {A, B} e;
  struct { e x; int n; } s;
  initial s.x = 1; //! enum-cast
endmodule

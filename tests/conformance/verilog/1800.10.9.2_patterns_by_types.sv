// IEEE 1800-2017 clause 10.9.2: in a pattern of a structure a type stands for all its members of that type
module t;
  typedef struct { int a, b; logic c; } s;
  s x = '{int: 5, default: 1};
  initial $display("%p", x);
endmodule
//> '{a:5, b:5, c:1}

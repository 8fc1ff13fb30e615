// IEEE 1800-2017 clause 26.3: a wildcard gives a name only where there is none
package p;
  localparam int A = 1, B = 2;
endpackage
module t;
  import p::*;
  localparam int A = 10;
  initial $display("%0d %0d %0d", A, B, p::A);
endmodule
//> 10 2 1

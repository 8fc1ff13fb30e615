// IEEE 1800-2017 clause 26.4: what a module declares itself comes before what it imports
package p;
  localparam int N = 1, M = 2;
endpackage
module t;
  import p::*;
  localparam int N = 5;
  initial $display("%0d %0d %0d", N, M, p::N);
endmodule
//> 5 2 1

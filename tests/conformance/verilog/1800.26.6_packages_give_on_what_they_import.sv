// IEEE 1800-2017 clause 26.6: by export, one name or all
package inner;
  localparam int K = 3, L = 4;
endpackage
package one;
  import inner::*;
  export inner::K;
endpackage
package all;
  import inner::*;
  export *::*;
  localparam int M = L + 1;
endpackage
module t;
  import all::*;
  initial $display("%0d %0d %0d", one::K, L, all::M);
endmodule
//> 3 4 5

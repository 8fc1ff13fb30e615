// IEEE 1800-2017 clause 26.3: what a package imports is none of its own names
package inner;
  localparam int K = 3;
endpackage
package outer;
  import inner::*;
  localparam int N = K;
endpackage
module t;
  int y = outer::K; //! no-name
endmodule

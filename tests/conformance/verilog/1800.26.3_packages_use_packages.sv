// IEEE 1800-2017 clause 26.3: whatever their order in the files
package outer;
  import inner::*;
  localparam int N = K * 2;
  function automatic int f(int a);
    return inner::g(a) + N;
  endfunction
endpackage
package inner;
  localparam int K = 3;
  function automatic int g(int a);
    return a * K;
  endfunction
endpackage
module t;
  initial $display("%0d %0d", outer::N, outer::f(5));
endmodule
//> 6 21

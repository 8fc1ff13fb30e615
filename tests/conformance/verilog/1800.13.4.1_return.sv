// IEEE 1800-2017 clause 13.4.1: gives the value and leaves
module t;
  function int sign(int a);
    if (a < 0) return -1;
    return a > 0;
  endfunction
  initial $display("%0d %0d %0d", sign(-5), sign(0), sign(7));
endmodule
//> -1 0 1

// IEEE 1800-2017 clause 6.21: a static variable of an automatic function keeps its value from call to call
module t;
  function automatic int next();
    static int n = 10;
    int fresh;
    fresh++;
    n += fresh;
    return n;
  endfunction
  initial $display("%0d %0d %0d", next(), next(), next());
endmodule
//> 11 12 13

// IEEE 1800-2017 clause 13.4: an automatic function may call itself
module t;
  function automatic int factorial(int n);
    return n < 2 ? 1 : n * factorial(n - 1);
  endfunction
  initial $display("%0d", factorial(6));
endmodule
//> 720

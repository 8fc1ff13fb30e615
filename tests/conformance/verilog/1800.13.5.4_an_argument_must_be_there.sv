// IEEE 1800-2017 clause 13.5.4: no argument of that name
module t;
  function automatic int f(int a);
    return a;
  endfunction
  initial $display("%0d", f(.b(1))); //! no-argument
endmodule

// IEEE 1800-2017 clause 13.8: a function of another instance is called along its path
module inner;
  int n = 3;
  function int times(int k);
    return n * k;
  endfunction
endmodule
module t;
  inner u ();
  initial $display("%0d", u.times(5));
endmodule
//> 15

// IEEE 1800-2017 clause 13.4: no time passes in it
module t;
  function automatic int f(int a); //! function-waits
    #1 return a;
  endfunction
  int y;
  initial y = f(1);
endmodule

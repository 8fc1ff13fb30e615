// IEEE 1364-2005 clause 10.4.4: only inputs
module t;
  function f(input a, output b); //! function-output
    f = a;
  endfunction
endmodule

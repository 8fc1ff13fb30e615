// IEEE 1364-2005 clause 10.4.3: every input is given
module t;
  function f(input a, b);
    f = a & b;
  endfunction
  wire y = f(1'b1); //! arguments
endmodule

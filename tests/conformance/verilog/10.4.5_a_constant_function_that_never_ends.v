// IEEE 1364-2005 clause 10.4.5: a constant has to be worked out
module m;
  function integer f(input integer n);
    begin while (n > 0) n = n + 0; f = n; end  //! too many steps
  endfunction
  localparam X = f(1);
  initial $display("%0d", X);
endmodule

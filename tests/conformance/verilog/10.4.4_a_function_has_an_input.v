// IEEE 1364-2005 clause 10.4.4: at least one
module t;
  function f; //! function-inputs
    f = 1;
  endfunction
endmodule

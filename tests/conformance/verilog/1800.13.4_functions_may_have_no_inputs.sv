// IEEE 1800-2017 clause 13.4: and are called with empty brackets
module t;
  function int seven();
    return 7;
  endfunction
  initial $display("%0d", seven());
endmodule
//> 7

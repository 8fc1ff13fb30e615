// IEEE 1364-2005 clause 10.4: of their own name
module t;
  function [3:0] twice(input [3:0] a);
    twice = a * 2;
  endfunction
  initial $display("%0d", twice(3) + twice(twice(1)));
endmodule
//> 10

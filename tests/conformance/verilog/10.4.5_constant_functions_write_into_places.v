// IEEE 1364-2005 clause 10.4.5: bits and words within a constant function
module m;
  function [7:0] reversed(input [7:0] a);
    integer i;
    for (i = 0; i < 8; i = i + 1) reversed[i] = a[7 - i];
  endfunction
  function [7:0] nibbles(input [7:0] a);
    begin nibbles[3:0] = a[7:4]; nibbles[4 +: 4] = a[0 +: 4]; end
  endfunction
  localparam R = reversed(8'b1101_0010), N = nibbles(8'h3c);
  initial $display("%b %h", R, N);
endmodule
//> 01001011 c3

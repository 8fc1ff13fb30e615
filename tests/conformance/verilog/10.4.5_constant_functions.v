// IEEE 1364-2005 clause 10.4.5: may give a width
module t;
  function integer bits(input integer n);
    begin
      bits = 0;
      while (2 ** bits < n) bits = bits + 1;
    end
  endfunction
  wire [bits(20)-1:0] v = -1;
  initial #1 $display("%b", v);
endmodule
//> 11111

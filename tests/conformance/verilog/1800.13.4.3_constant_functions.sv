// IEEE 1800-2017 clause 13.4.3: a function of constants may give the size of a vector
module t;
  function automatic int bits_for(int n);
    bits_for = 0;
    while (n > 0) begin
      bits_for++;
      n >>= 1;
    end
  endfunction
  logic [bits_for(200) - 1:0] v;
  initial $display("%0d", $bits(v));
endmodule
//> 8

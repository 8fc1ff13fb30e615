// IEEE 1364-2005 clause 4.8: a time variable
module t;
  time x;
  initial begin
    x = -1;
    $display("%0d", x);
  end
endmodule
//> 18446744073709551615

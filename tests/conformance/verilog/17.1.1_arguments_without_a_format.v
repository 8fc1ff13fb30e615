// IEEE 1364-2005 clause 17.1.1: are shown in decimal, by $displayh in hexadecimal
module t;
  initial begin
    $display(8'd10, "x", 4'd3);
    $displayh(8'd10);
    $displayb(4'd10);
  end
endmodule
//>  10x 3
//> 0a
//> 1010

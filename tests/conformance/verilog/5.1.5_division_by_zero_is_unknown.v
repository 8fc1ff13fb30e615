// IEEE 1364-2005 clause 5.1.5: for / and %
module t;
  reg [3:0] z;
  initial begin
    z = 0;
    $display("%b %b", 4'd5/z, 4'd5%z);
  end
endmodule
//> xxxx xxxx

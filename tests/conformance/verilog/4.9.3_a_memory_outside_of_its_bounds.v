// IEEE 1364-2005 clause 4.9.3: reading gives x, writing does nothing
module t;
  reg [3:0] m [0:1];
  initial begin
    m[0] = 1; m[1] = 2; m[2] = 3;
    $display("%0d%0d %b", m[0], m[1], m[2]);
  end
endmodule
//> 12 xxxx

// IEEE 1364-2005 clause 4.9.2: each index selects in its own dimension
module t;
  reg [7:0] m [0:1][0:2];
  initial begin
    m[1][2] = 8'd42; m[0][2] = 8'd7;
    $display("%0d %0d", m[1][2], m[0][2]);
  end
endmodule
//> 42 7

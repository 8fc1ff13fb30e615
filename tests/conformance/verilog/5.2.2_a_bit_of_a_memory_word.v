// IEEE 1364-2005 clause 5.2.2: index of the word, then of the bit
module t;
  reg [7:0] m [0:3];
  initial begin
    m[2] = 8'b0100_0000;
    m[2][1:0] = 2'b11;
    $display("%b %b", m[2][6], m[2]);
  end
endmodule
//> 1 01000011

// IEEE 1364-2005 clause 5.1.12: >>> of a signed word, but not of an unsigned one
module t;
  reg signed [3:0] s;
  reg [3:0] u;
  initial begin
    s = 4'b1000; u = 4'b1000;
    $display("%b %b %b", s >>> 2, u >>> 2, s <<< 1);
  end
endmodule
//> 1110 0010 0000

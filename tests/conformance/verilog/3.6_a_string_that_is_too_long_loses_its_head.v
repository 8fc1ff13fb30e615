// IEEE 1364-2005 clause 3.6: characters on the left are cut
module t;
  reg [15:0] s;
  initial begin
    s = "abc";
    $display("%s", s);
  end
endmodule
//> bc

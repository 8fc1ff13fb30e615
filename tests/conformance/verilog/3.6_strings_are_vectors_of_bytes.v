// IEEE 1364-2005 clause 3.6: 8 bits a character, right-justified with zeros on the left
module t;
  reg [31:0] s;
  initial begin
    s = "Hi";
    $display("%h [%s]", s, s);
  end
endmodule
//> 00004869 [  Hi]

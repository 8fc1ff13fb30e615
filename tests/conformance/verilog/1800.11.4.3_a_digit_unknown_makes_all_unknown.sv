// IEEE 1800-2017 clause 11.4.3: arithmetic with an x is x in every digit
module t;
  logic [3:0] a = 4'b00x1;
  initial begin
    $display("%b %b %b", a + 4'd1, a * 4'd0, -a);
    $display("%b %b", a & 4'd1, a | 4'b0010);
  end
endmodule
//> xxxx xxxx xxxx
//> 0001 0011

// IEEE 1800-2017 clause 11.4.10: `>>>` fills with the sign only where the value has one
module t;
  logic [3:0] u = 4'b1001;
  logic signed [3:0] s = 4'b1001;
  logic signed [5:0] wide;
  initial begin
    $display("%b %b", u >>> 1, s >>> 1);
    wide = s >>> 1;
    $display("%b", wide);
    wide = u >>> 1;
    $display("%b", wide);
  end
endmodule
//> 0100 1100
//> 111100
//> 000100

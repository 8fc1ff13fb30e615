// IEEE 1800-2017 clause 28.5: two drivers in turn
module t;
  logic a = 1, b = 0, ea, eb;
  wire y;
  bufif1 (y, a, ea);
  bufif0 (y, b, eb);
  initial begin
    ea = 1; eb = 1; #1 $display("%b", y);
    ea = 0; eb = 0; #1 $display("%b", y);
    ea = 0; eb = 1; #1 $display("%b", y);
    ea = 1; eb = 0; #1 $display("%b", y);
  end
endmodule
//> 1
//> 0
//> z
//> x

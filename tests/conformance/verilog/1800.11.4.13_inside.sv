// IEEE 1800-2017 clause 11.4.13: x and z on the right match anything, on the left they make it unknown
module t;
  int a [3] = '{4, 8, 12};
  logic [3:0] v = 4'b1x00;
  initial begin
    $display("%b %b %b", 5 inside {1, [4:6]}, 7 inside {1, [4:6]}, 8 inside {a});
    $display("%b %b", v inside {4'b1?00}, v inside {4'b1000});
    $display("%b", -1 inside {[-2:0]});
  end
endmodule
//> 1 0 1
//> 1 x
//> 1

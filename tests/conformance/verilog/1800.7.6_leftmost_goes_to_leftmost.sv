// IEEE 1800-2017 clause 7.6: elements are assigned by their order, whatever their indices
module t;
  int up [0:2], down [2:0];
  initial begin
    up = '{1, 2, 3};
    down = up;
    $display("%0d %0d %0d", down[2], down[1], down[0]);
    $display("%b", down == up);
  end
endmodule
//> 1 2 3
//> 1

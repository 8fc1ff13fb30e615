// IEEE 1800-2017 clause 7.12.3: unless `with` makes them larger
module t;
  logic [3:0] a [4] = '{9, 8, 7, 6};
  initial begin
    $display("%0d", a.sum());
    $display("%0d", a.sum() with (8'(item)));
    $display("%0d", a.xor());
    $display("%0d", a.product() with (int'(item)));
  end
endmodule
//> 14
//> 30
//> 0
//> 3024

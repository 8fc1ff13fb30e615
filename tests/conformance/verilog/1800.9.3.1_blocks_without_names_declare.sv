// IEEE 1800-2017 clause 9.3.1: variables of their own
module t;
  initial begin
    int i;
    i = 4;
    $display("%0d", i);
  end
endmodule
//> 4

// IEEE 1800-2017 clause 12.7.2: what is x, z or below 0 repeats nothing
module t;
  logic [3:0] n;
  int m = -1;
  initial begin
    repeat (n) $display("x");
    repeat (m) $display("negative");
    repeat (0) $display("zero");
    repeat (2) $display("twice");
  end
endmodule
//> twice
//> twice

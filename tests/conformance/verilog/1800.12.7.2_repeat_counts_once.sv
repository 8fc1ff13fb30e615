// IEEE 1800-2017 clause 12.7.2: `repeat` asks how often when it begins
module t;
  int n = 3;
  initial begin
    repeat (n) begin
      n = 0;
      $write("r");
    end
    $display;
  end
endmodule
//> rrr

// IEEE 1800-2017 clause 22.13: `__FILE__ and `__LINE__ stand for where they stand
module t;
  initial begin
    $display("%0d", `__LINE__);
    $display("%s", `__FILE__);
  end
endmodule
//> 4
//> 1800.22.13_file_and_line.sv

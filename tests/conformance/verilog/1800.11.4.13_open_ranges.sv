// IEEE 1800-2017 clause 11.4.13: `$` is the least or the greatest value of a range
module t;
  int n = 9;
  initial begin
    $display("%b %b %b", n inside {[5:$]}, n inside {[$:5]}, n inside {[10:$], 9});
    case (n) inside
      [$:3]: $display("low");
      [4:$]: $display("high");
    endcase
  end
endmodule
//> 1 0 1
//> high

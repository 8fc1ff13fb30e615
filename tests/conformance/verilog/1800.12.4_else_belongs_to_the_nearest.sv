// IEEE 1800-2017 clause 12.4: an `else` belongs to the nearest `if`
module t;
  initial begin
    if (1)
      if (0) $display("no");
      else $display("inner");
    if (0) begin
      if (1) $display("no");
    end else $display("outer");
  end
endmodule
//> inner
//> outer

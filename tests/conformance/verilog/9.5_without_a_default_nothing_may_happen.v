// IEEE 1364-2005 clause 9.5: a case that no item matches
module t;
  initial begin
    case (2'd3)
      2'd0: $display("zero");
    endcase
    $display("after");
  end
endmodule
//> after

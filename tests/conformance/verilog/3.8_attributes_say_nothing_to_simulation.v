// IEEE 1364-2005 clause 3.8: (* ... *) may stand before items and statements
(* top *) module t;
  (* keep = 1 *) reg a;
  initial (* slow *) begin
    a = 1;
    $display("%b", a);
  end
endmodule
//> 1
